import { startStandIns } from './server';

const { port } = await startStandIns(Number(process.env.STANDINS_PORT ?? 5181));
console.log(`stand-ins for the outside web at 127.0.0.1:${port}`);
