/** The page's token, which every change has to show; undefined before the server gave one. */
export const pageToken = () => document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1]
