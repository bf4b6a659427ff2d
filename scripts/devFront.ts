import { createServer } from 'node:http';
import express from 'express';
import { createProxyMiddleware } from 'http-proxy-middleware';

/** One address for the developer's browser: entries of the API go to the server, everything else to the bundler, live reload too. */
const [port, api, bundler] = ['ZT_PORT', 'ZT_DEV_API', 'ZT_DEV_BUNDLER'].map((name) => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; start with: npm run dev`);
  return value;
});

const app = express();
// The server answers to its own name only, and takes changes from its own pages only.
const server = createProxyMiddleware({ target: api, changeOrigin: true, headers: { origin: String(api) } });
app.use((request, response, next) => (request.path.startsWith('/api') ? server(request, response, next) : next()));
const pages = createProxyMiddleware({ target: bundler, changeOrigin: true, ws: true });
app.use(pages);
const front = createServer(app);
front.on('upgrade', pages.upgrade);
front.listen(Number(port), '127.0.0.1', () =>
  console.log(`Zealous Tracer, for developers, is at http://127.0.0.1:${port}`),
);
