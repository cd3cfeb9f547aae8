const MOST_BYTES = 22_000
/** The longest side and the quality, better ones first. */
const WAYS = [
  [640, 0.6],
  [640, 0.4],
  [480, 0.45],
  [360, 0.4],
  [240, 0.4],
] as const

/** A photo made small, so that ten pass a bad line in seconds: as good as some 22 kB allow. Undefined where this browser
 * cannot, or where it is small already. */
export async function smallOf(photo: Blob): Promise<Blob | undefined> {
  try {
    const picture = await createImageBitmap(photo)
    let made = photo
    for (const [most, quality] of WAYS) {
      made = await redrawn(picture, most, quality)
      if (made.size <= MOST_BYTES) break
    }
    picture.close()
    return made.size < photo.size / 2 ? made : undefined
  } catch {
    return undefined
  }
}

function redrawn(picture: ImageBitmap, most: number, quality: number): Promise<Blob> {
  const scale = Math.min(1, most / Math.max(picture.width, picture.height))
  const width = Math.max(1, Math.round(picture.width * scale))
  const height = Math.max(1, Math.round(picture.height * scale))
  const canvas = new OffscreenCanvas(width, height)
  canvas.getContext('2d')!.drawImage(picture, 0, 0, width, height)
  return canvas.convertToBlob({ type: 'image/jpeg', quality })
}
