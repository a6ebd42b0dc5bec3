/** Typed routes. The Bench has a frame of its own; Floor, Families and Gauges share the Shell. */
import { createRootRoute, createRoute, createRouter, lazyRouteComponent } from '@tanstack/react-router';
import { Notice } from '../app/Notice';
import { Bench } from '../work/Bench';
import { Door, Shell } from './Shell';

/** `?revision=2` shows that one; anything else the newest. */
function revisionSearch(search: Record<string, unknown>): { revision?: number } {
  const number = Number(search.revision);
  return Number.isInteger(number) && number > 0 ? { revision: number } : {};
}

const root = createRootRoute({
  component: Door,
  notFoundComponent: () => (
    <Notice title="There is nothing here" toFloor>
      This address leads nowhere: it was mistyped, or is of another version.
    </Notice>
  ),
});
const shell = createRoute({ getParentRoute: () => root, id: 'shell', component: Shell });
const floor = createRoute({
  getParentRoute: () => shell,
  path: '/',
  component: lazyRouteComponent(() => import('../work/Floor'), 'Floor'),
});
const families = createRoute({
  getParentRoute: () => shell,
  path: '/families',
  component: lazyRouteComponent(() => import('../writer/Families'), 'Families'),
});
const family = createRoute({
  getParentRoute: () => shell,
  path: '/families/$code',
  validateSearch: revisionSearch,
  component: lazyRouteComponent(() => import('../engine/FamilyPage'), 'FamilyPage'),
});
const familyTwin = createRoute({
  getParentRoute: () => shell,
  path: '/families/$code/twin',
  validateSearch: revisionSearch,
  component: lazyRouteComponent(() => import('../motion/FamilyTwin'), 'FamilyTwin'),
});
const familyClearway = createRoute({
  getParentRoute: () => shell,
  path: '/families/$code/clearway',
  validateSearch: revisionSearch,
  component: lazyRouteComponent(() => import('../clearway/FamilyClearway'), 'FamilyClearway'),
});
const importFamily = createRoute({
  getParentRoute: () => shell,
  path: '/import',
  component: lazyRouteComponent(() => import('../engine/ImportPage'), 'ImportPage'),
});
const draft = createRoute({
  getParentRoute: () => root,
  path: '/drafts/$id',
  validateSearch: (search: Record<string, unknown>): { at?: string } =>
    typeof search.at === 'string' ? { at: search.at } : {},
  component: lazyRouteComponent(() => import('../writer/WriterRoute'), 'WriterRoute'),
});
const compare = createRoute({
  getParentRoute: () => shell,
  path: '/families/$code/revisions',
  component: lazyRouteComponent(() => import('../engine/Revisions'), 'Revisions'),
});
const lookBack = createRoute({
  getParentRoute: () => shell,
  path: '/families/$code/back',
  validateSearch: (search: Record<string, unknown>): { serial?: string } =>
    typeof search.serial === 'string' ? { serial: search.serial } : {},
  component: lazyRouteComponent(() => import('../back/LookingBack'), 'LookingBack'),
});
const gauges = createRoute({
  getParentRoute: () => shell,
  path: '/gauges',
  component: lazyRouteComponent(() => import('../shop/Gauges'), 'Gauges'),
});
const stock = createRoute({
  getParentRoute: () => shell,
  path: '/stock',
  component: lazyRouteComponent(() => import('../shop/Stock'), 'Stock'),
});
const workings = createRoute({
  getParentRoute: () => shell,
  path: '/workings',
  component: lazyRouteComponent(() => import('./Workings'), 'Workings'),
});
const people = createRoute({
  getParentRoute: () => shell,
  path: '/people',
  component: lazyRouteComponent(() => import('../shop/People'), 'People'),
});
const keys = createRoute({
  getParentRoute: () => shell,
  path: '/keys',
  component: lazyRouteComponent(() => import('../shop/ScriptKeys'), 'ScriptKeys'),
});
const first = createRoute({
  getParentRoute: () => root,
  path: '/first',
  component: lazyRouteComponent(() => import('../first/FirstRoute'), 'FirstRoute'),
});
const wall = createRoute({
  getParentRoute: () => root,
  path: '/wall',
  component: lazyRouteComponent(() => import('../work/Wall'), 'Wall'),
});
const pair = createRoute({
  getParentRoute: () => root,
  path: '/pair',
  component: lazyRouteComponent(() => import('../first/Pair'), 'Pair'),
});
const bench = createRoute({
  getParentRoute: () => root,
  path: '/bench/$serial',
  component: function BenchRoute() {
    const { serial } = bench.useParams();
    return <Bench key={serial} serial={serial} />;
  },
});

const benchTwin = createRoute({
  getParentRoute: () => root,
  path: '/bench/$serial/twin',
  component: lazyRouteComponent(() => import('../work/BenchTwin'), 'BenchTwin'),
});

const benchPictures = createRoute({
  getParentRoute: () => root,
  path: '/bench/$serial/pictures',
  validateSearch: (search: Record<string, unknown>): { at?: string } =>
    typeof search.at === 'string' ? { at: search.at } : {},
  component: lazyRouteComponent(() => import('../work/BenchPictures'), 'BenchPictures'),
});

const benchClearway = createRoute({
  getParentRoute: () => root,
  path: '/bench/$serial/clearway',
  component: lazyRouteComponent(() => import('../work/BenchClearway'), 'BenchClearway'),
});

export const router = createRouter({
  routeTree: root.addChildren([
    shell.addChildren([
      floor,
      families,
      family,
      familyTwin,
      familyClearway,
      importFamily,
      compare,
      lookBack,
      gauges,
      stock,
      workings,
      people,
      keys,
    ]),
    draft,
    first,
    pair,
    wall,
    bench,
    benchTwin,
    benchClearway,
    benchPictures,
  ]),
});

declare module '@tanstack/react-router' {
  interface Register {
    router: typeof router;
  }
}
