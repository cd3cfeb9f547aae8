/** The page's token, which every change has to show; undefined before the server gave one. */
export const pageToken = () => document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1]
/** How the server titles a refusal of the page's token: the session is another's, or over. */
export const STALE = 'Reload the page and try again'
