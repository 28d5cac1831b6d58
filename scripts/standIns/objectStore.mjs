// A small stand-in for an object store that speaks the S3 protocol, as far as photos need it: PUT, GET and DELETE of one object, with signed
// requests. Holds what it is given in memory. For tests and for trying it out: node scripts/standIns/objectStore.mjs PORT
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';

const SIGNED = /^AWS4-HMAC-SHA256 Credential=([^/]+)\/\d{8}\/[^/]+\/s3\/aws4_request, SignedHeaders=[^,]+, Signature=[0-9a-f]{64}$/;

/** @param keyId of who may ask; @returns where it listens, what it holds by path, and how to end it */
export async function startObjectStore({ keyId, port = 0 }) {
  const objects = new Map();
  const server = createServer((request, response) => {
    const answer = (status, body) => response.writeHead(status).end(body);
    if (SIGNED.exec(request.headers.authorization ?? '')?.[1] !== keyId) return answer(403, 'AccessDenied');
    const path = new URL(request.url, 'http://store').pathname;
    if (request.method === 'PUT') {
      const parts = [];
      request.on('data', (part) => parts.push(part));
      request.on('end', () => {
        objects.set(path, Buffer.concat(parts));
        answer(200);
      });
    } else if (request.method === 'GET') {
      const found = objects.get(path);
      if (found) answer(200, found);
      else answer(404, 'NoSuchKey');
    } else if (request.method === 'DELETE') {
      objects.delete(path);
      answer(204);
    } else answer(405);
  });
  await new Promise((resolve) => server.listen(port, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${server.address().port}/wattograph`,
    port: server.address().port,
    objects,
    stop: () => new Promise((resolve) => (server.closeAllConnections(), server.close(resolve))),
  };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { address } = await startObjectStore({ keyId: 'demo', port: Number(process.argv[2] ?? 0) });
  console.log(`WATTOGRAPH_PHOTOS=${address} AWS_ACCESS_KEY_ID=demo AWS_SECRET_ACCESS_KEY=anything npm start`);
}
