/** Answers whose status forbids a body. */
const EMPTY = [204, 205, 304]
const MOST_MS = 15_000

/** An answer with all of its body; undefined where that does not arrive in time. One whose line tears in the middle is none. */
export async function whole(
  asked: Request | string,
  most = MOST_MS,
  init: RequestInit = {},
): Promise<Response | undefined> {
  try {
    const got = await fetch(asked, { ...init, signal: AbortSignal.timeout(most) })
    const body = await got.arrayBuffer()
    return new Response(EMPTY.includes(got.status) ? null : body, got)
  } catch {
    return undefined
  }
}
