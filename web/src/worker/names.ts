/** Where the service worker keeps what a person has seen, and files that were shared to us. */
export const KNOWN = 'velvet-kite-known'
export const SHARED = 'velvet-kite-shared'
/** Where the system sends files that are shared to us. */
export const SHARE_PATH = '/share'
/** Header that holds the name of a shared file. */
export const FILE_NAME = 'X-File-Name'
