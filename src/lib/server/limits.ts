/** Most bytes of anything fetched or handed over: a document, a file of references, a recording. */
export const MOST_BYTES = 50 * 1024 * 1024;

/** Most bytes of a request in JSON, which is read at once: a page handed over with what stands around it. */
export const MOST_JSON = 26 * 1024 * 1024;

/** A number of bytes as it is said: “50 MB”. */
export const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;
