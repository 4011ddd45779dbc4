import net from 'node:net';

/**
 * A port on loopback that nothing listens on: the wanted one if it is free, or any.
 * @param {number} [wanted]
 * @returns {Promise<number>}
 */
export async function freePort(wanted = 0) {
  const found = await listen(wanted).catch(() => null);
  return found ?? (await listen(0));
}

/**
 * @param {number} port
 * @returns {Promise<number>}
 */
function listen(port) {
  return new Promise((resolve, reject) => {
    const server = net.createServer();
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : port));
    });
  });
}
