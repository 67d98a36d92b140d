import { Validator } from '@seriousme/openapi-schema-validator';
import type { Means } from '../means.js';
import { apiRoutes } from '../routes.js';
import { openShop, type TestShop } from '../../testing/shop.js';
import { openApi } from './openApi.js';
import { OPERATIONS } from './operations.js';

/** Routes that describe the others, or that only a browser asks for. */
const OWN = ['get /openapi.json', 'get /docs', 'get /docs/begin.js'];

interface Route {
  readonly methods: Readonly<Record<string, boolean>>;
}

describe('the description of the interface', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  afterAll(() => shop.close());

  it('is sound by a validator that knows nothing of ours', async () => {
    const { valid, errors } = await new Validator().validate(JSON.parse(JSON.stringify(openApi('1.2.3'))) as never);
    expect(errors).toBeUndefined();
    expect(valid).toBeTrue();
  });

  it('tells of every route there is, and of no other', () => {
    const lan = { devices: {}, address: '' } as never;
    const router = apiRoutes({ sequelize: shop.sequelize, solver: shop.solver, news: {}, lan } as unknown as Means);
    const routes = router.stack.flatMap(({ route }) =>
      route ? Object.keys((route as unknown as Route).methods).map((method) => `${method} ${route.path.replace(/:(\w+)/g, '{$1}')}`) : [],
    );
    const told = OPERATIONS.map(({ method, path }) => `${method} ${path}`);
    expect([...new Set(told)].length).toBe(told.length);
    expect(routes.filter((route) => !told.includes(route) && !OWN.includes(route))).toEqual([]);
    expect(told.filter((route) => !routes.includes(route))).toEqual([]);
  });

  it('has examples that run as they stand', async () => {
    const withExample = OPERATIONS.filter(({ example }) => example !== undefined);
    expect(withExample.length).toBeGreaterThan(0);
    for (const { path, example } of withExample)
      await shop.http
        .post(`/api${path}`)
        .send(example as object)
        .expect(200);
  });

  it('is shown by a page whose parts are all served from here', async () => {
    const { text } = await shop.http.get('/api/docs').expect(200).expect('Content-Type', /html/);
    const parts = [...text.matchAll(/(?:src|href)="([^"]+)"/g)].map(([, address]) => address);
    expect(parts.length).toBe(3);
    for (const part of parts) {
      expect(part).toMatch(/^\/api\/docs\//);
      await shop.http.get(part).expect(200);
    }
    await shop.http.get('/api/openapi.json').expect(200);
  });
});
