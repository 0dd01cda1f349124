/**
 * Routes that are answered to everybody, signed in or not: those at the door, links to read, and what says that the server is well.
 * All others are answered to who is let in. What is here names nothing of a library but by a secret.
 */
const OPEN = /^\/(?:\(door\)\/|api\/door\/|read\/\[secret\]|health$|metrics$|reading\.css$)/;

export const isOpen = (route: string | null): boolean => route !== null && OPEN.test(route);
