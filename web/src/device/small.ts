const MOST = 640
const MOST_BYTES = 22_000
const QUALITIES = [0.6, 0.45, 0.3]

/** A photo made small, so that ten pass a bad line in seconds: at most 640 pixels wide or high. Undefined where this browser
 * cannot, or where it is small already. */
export async function smallOf(photo: Blob): Promise<Blob | undefined> {
  try {
    const picture = await createImageBitmap(photo)
    const scale = Math.min(1, MOST / Math.max(picture.width, picture.height))
    const [width, height] = [picture.width, picture.height].map((side) => Math.round(side * scale))
    const canvas = new OffscreenCanvas(width!, height!)
    canvas.getContext('2d')!.drawImage(picture, 0, 0, width!, height!)
    picture.close()
    let made = photo
    for (const quality of QUALITIES) {
      made = await canvas.convertToBlob({ type: 'image/jpeg', quality })
      if (made.size <= MOST_BYTES) break
    }
    return made.size < photo.size / 2 ? made : undefined
  } catch {
    return undefined
  }
}
