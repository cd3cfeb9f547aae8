/** The longest side in pixels, and qualities of it; better ones first. */
type Ways = readonly (readonly [number, readonly number[]])[]
const DRAFT: Ways = [
  [640, [0.6, 0.4]],
  [480, [0.45]],
  [360, [0.4]],
  [240, [0.4]],
]
const DRAFT_BYTES = 22_000

/** A photo made small, so that ten pass a bad line in seconds: as good as some 22 kB allow. Undefined where this browser
 * cannot, or where it is small already. */
export async function smallOf(photo: Blob): Promise<Blob | undefined> {
  const made = await reduced(photo, DRAFT, DRAFT_BYTES).catch(() => undefined)
  return made && made.size < photo.size / 2 ? made : undefined
}

/** A picture as JPEG by the first of the ways that takes no more bytes than these, or by the last. */
export async function reduced(photo: Blob, ways: Ways, mostBytes: number): Promise<Blob> {
  const picture = await createImageBitmap(photo)
  let made = photo
  try {
    for (const [side, qualities] of ways) {
      const encoded = drawn(picture, side)
      for (const quality of qualities) {
        made = await encoded(quality)
        if (made.size <= mostBytes) return made
      }
    }
    return made
  } finally {
    picture.close() // ten of them would fill a phone
  }
}

/** A picture drawn no larger than this, to be encoded. A worker has no document, an older browser no canvas without one. */
function drawn(picture: ImageBitmap, most: number): (quality: number) => Promise<Blob> {
  const scale = Math.min(1, most / Math.max(picture.width, picture.height))
  const size = (side: number) => Math.max(1, Math.round(side * scale))
  const [width, height] = [size(picture.width), size(picture.height)]
  if (typeof OffscreenCanvas !== 'undefined') {
    const canvas = new OffscreenCanvas(width, height)
    canvas.getContext('2d')!.drawImage(picture, 0, 0, width, height)
    return (quality) => canvas.convertToBlob({ type: 'image/jpeg', quality })
  }
  const canvas = Object.assign(document.createElement('canvas'), { width, height })
  canvas.getContext('2d')!.drawImage(picture, 0, 0, width, height)
  return (quality) =>
    new Promise((done) => canvas.toBlob((blob) => done(blob!), 'image/jpeg', quality))
}
