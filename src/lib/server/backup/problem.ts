/** Something cannot be made, opened or restored, in words for who runs the server. */
export class BackupProblem extends Error {}
