import { type Analysis, type Diagram, diagramOf, type Layout, type Network } from '@bastion/core';
import { useEffect, useMemo, useState } from 'react';
import { layOut } from '../../workers/layout.ts';

export interface SingleLine {
  readonly network: Network;
  readonly diagram: Diagram;
  /** Undefined while it is being laid out for the first time. */
  readonly layout: Layout | undefined;
  readonly failed: boolean;
}

/** The single line of an analysis with where everything stands; undefined while the supply is not known. */
export function useSingleLine({ installation }: Analysis): SingleLine | undefined {
  const network = installation.network.known ? installation.network.value : undefined;
  const diagram = useMemo(
    () => (network === undefined ? undefined : diagramOf(installation, network)),
    [installation, network],
  );
  // Most edits change words and not what is drawn: then everything stays where it is.
  const key = useMemo(
    () =>
      JSON.stringify([
        diagram?.nodes.map(({ id, widthPx, heightPx }) => [id, widthPx, heightPx]),
        diagram?.edges.map(({ id }) => id),
      ]),
    [diagram],
  );
  const [laid, setLaid] = useState<{ readonly key: string; readonly layout: Layout | 'failed' }>();
  useEffect(() => {
    if (diagram === undefined || laid?.key === key) return;
    let isOld = false;
    layOut(diagram).then(
      (layout) => {
        if (!isOld) setLaid({ key, layout });
      },
      () => {
        if (!isOld) setLaid({ key, layout: 'failed' });
      },
    );
    return () => {
      isOld = true;
    };
  }, [diagram, key, laid]);
  return useMemo(() => {
    if (network === undefined || diagram === undefined) return undefined;
    const layout = laid === undefined || laid.layout === 'failed' ? undefined : laid.layout;
    return { network, diagram, layout, failed: laid?.layout === 'failed' };
  }, [network, diagram, laid]);
}
