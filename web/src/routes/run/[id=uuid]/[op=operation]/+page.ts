// marks live in the browser first: the page is drawn there
export const ssr = false;
