/** Answers after which nobody knows what became of a request: it is sent again later. */
export const AWAY = [408, 425, 429, 502, 503, 504]
/** How the server titles a refusal of the page's token: the session is another's, or over. */
export const STALE = 'Reload the page and try again'
