import { checkTable } from '../../testkit/checkTable.ts';
import { withStrings } from '../../testkit/wired.ts';
import { pvRapidShutdown } from './pvRapidShutdown.ts';

checkTable(pvRapidShutdown, [
  { name: 'not wanted in the metric profile', edit: (d) => withStrings(d, 10), state: 'nothing' },
  {
    name: 'wanted and not said',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      withStrings(d, 10);
    },
    state: 'unknown',
    missing: 'arrays/a/rapidShutdown',
  },
  {
    name: 'wanted and not there',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      withStrings(d, 10, { rapidShutdown: 'none' });
    },
    state: 'over',
  },
  {
    name: 'fitted',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      withStrings(d, 10, { rapidShutdown: 'fitted' });
    },
    state: 'within',
  },
]);
