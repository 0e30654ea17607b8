import express, { Router } from 'express';
import { builtFiles } from './built-files.ts';

/** The console: its built files, and one page for all of its own addresses, which it reads itself. */
export function consoleFiles(folder: string): Router {
  const router = Router();
  router.use('/assets', builtFiles(`${folder}/assets`));
  router.use(express.static(folder, { index: false, setHeaders: (response) => response.setHeader('cache-control', 'no-cache') }));
  router.get('/{*rest}', (_, response) => {
    response.sendFile('index.html', { root: folder, headers: { 'cache-control': 'no-cache' } });
  });
  return router;
}
