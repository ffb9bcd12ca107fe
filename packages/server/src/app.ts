import { existsSync } from 'node:fs';
import fastifyStatic from '@fastify/static';
import fastifySwagger from '@fastify/swagger';
import Fastify, { type FastifyInstance, type FastifyServerOptions } from 'fastify';
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from './app-context';
import { decisionRoutes } from './decisions/routes';
import { AppError } from './errors';
import { exportRoutes } from './exports/routes';
import { harvestRoutes } from './harvests/routes';
import { errors } from './http/errors';
import { patient } from './http/patient';
import { ok } from './http/schemas';
import { security } from './http/security';
import { jobRoutes } from './jobs/routes';
import { ledgerRoutes } from './ledger/routes';
import { outsideRoutes } from './outside/routes';
import { pickListRoutes } from './picks/routes';
import { registerRoutes } from './register/routes';
import { runRoutes } from './runs/routes';
import { directoryRoutes } from './searches/directory-routes';
import { searchRoutes } from './searches/routes';
import { settingsRoutes } from './settings/routes';
import { sieveRoutes } from './sieve/routes';
import { sourceRoutes } from './sources/routes';
import { typedRoutes } from './sources/typed-routes';

/** Every subject's routes. */
const ROUTES = [
  jobRoutes,
  decisionRoutes,
  sourceRoutes,
  typedRoutes,
  harvestRoutes,
  sieveRoutes,
  runRoutes,
  searchRoutes,
  directoryRoutes,
  pickListRoutes,
  registerRoutes,
  exportRoutes,
  ledgerRoutes,
  outsideRoutes,
  settingsRoutes,
];

const PATIENCE_MS = 10_000;

export interface AppOptions {
  /** Folder of the built web application; none in tests. */
  webDir?: string;
  logger?: FastifyServerOptions['logger'];
  /** How long a command waits for another's lock. */
  patienceMs?: number;
}

/** Builds the server; never listens. */
export async function buildApp(context: AppContext, options: AppOptions = {}): Promise<FastifyInstance> {
  // Names of exported files are up to 112 characters long.
  const app = Fastify({
    logger: options.logger ?? false,
    forceCloseConnections: true,
    routerOptions: { maxParamLength: 200 },
  });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  patient(app, options.patienceMs ?? PATIENCE_MS);
  security(app);
  errors(app);
  await app.register(fastifySwagger, {
    openapi: { info: { title: 'Crisp Sieve', version: '0.1.0' } },
    transform: jsonSchemaTransform,
  });
  app.get('/api/health', { schema: ok(z.object({ ok: z.boolean() })) }, () => ({ ok: true }));
  app.get('/api/docs', { schema: { hide: true } }, () => app.swagger());
  context.events.route(app);
  for (const routes of ROUTES) await app.register(routes(context));
  if (options.webDir && existsSync(options.webDir)) await serveWeb(app, options.webDir);
  else
    app.setNotFoundHandler(() => {
      throw new AppError('not-found', { what: 'address' });
    });
  return app;
}

/** The built application; any address without an extension is the application itself. */
async function serveWeb(app: FastifyInstance, root: string): Promise<void> {
  await app.register(fastifyStatic, {
    root,
    preCompressed: true,
    wildcard: true,
    setHeaders: (reply, path) => {
      const hashed = /-[A-Z0-9]{8}\.\w+$/.test(path.replace(/\.(br|gz)$/, ''));
      void reply.header('cache-control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  app.setNotFoundHandler((request, reply) => {
    if (request.method === 'GET' && !request.url.startsWith('/api/') && !/\.\w+$/.test(request.url.split('?')[0]!))
      return reply.sendFile('index.html');
    throw new AppError('not-found', { what: 'address' });
  });
}
