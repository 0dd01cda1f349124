import { startStandIns } from './server';

const { port, env } = await startStandIns(
  Number(process.env.STANDINS_PORT ?? 5181),
  Number(process.env.STANDINS_MAIL_PORT ?? 5182),
);
console.log(`stand-ins for the outside web at 127.0.0.1:${port}, for a mail server at ${env.RETEXA_SMTP}`);
console.log(`mail that was sent is at http://127.0.0.1:${port}/mail`);
