const KEY = 'bastion.window';
const lockName = (id: string): string => `bastion-window-${id}`;

/** Web locks are there in secure contexts alone: on loopback and over TLS, not on a plain address of the office. */
const locks = (): LockManager | undefined => (navigator as Partial<Navigator>).locks;

/** Holds a name for as long as this window lives; false where another window has it. */
function hold(id: string): Promise<boolean> {
  return new Promise((resolve) => {
    const manager = locks();
    if (manager === undefined) {
      resolve(true);
      return;
    }
    manager
      .request(lockName(id), { ifAvailable: true }, (lock) => {
        resolve(lock !== null);
        // Held until the window is gone.
        return lock === null ? undefined : new Promise<never>(() => undefined);
      })
      .catch(() => resolve(true));
  });
}

function keptId(): string {
  try {
    return sessionStorage.getItem(KEY) ?? crypto.randomUUID();
  } catch {
    return crypto.randomUUID();
  }
}

async function ownId(): Promise<string> {
  let id = keptId();
  // A window that was duplicated brings the id of the first with it.
  if (!(await hold(id))) {
    id = crypto.randomUUID();
    await hold(id);
  }
  try {
    sessionStorage.setItem(KEY, id);
  } catch {
    // It is another window after a reload: what it left is found as that of a window that is gone.
  }
  return id;
}

let own: Promise<string> | undefined;

/** What this window is called; the same after a reload. */
export const windowId = (): Promise<string> => (own ??= ownId());

/** The windows that are open now; undefined where the browser cannot tell. */
export async function openWindows(): Promise<ReadonlySet<string> | undefined> {
  const manager = locks();
  if (manager === undefined) return undefined;
  const { held } = await manager.query();
  const prefix = lockName('');
  return new Set(
    (held ?? []).flatMap(({ name }) => (name?.startsWith(prefix) ? [name.slice(prefix.length)] : [])),
  );
}
