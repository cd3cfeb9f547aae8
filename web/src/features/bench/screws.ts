/** The screws of a switch, the upper point's first: of each point, and of its deadband where that can be adjusted. */
export function screwsOf(points: { deadband?: string }[]): [id: string, title: string][] {
  const ids = points.length > 1 ? ['lower', 'upper'] : ['lower']
  return ids
    .flatMap((id, at): [string, string][] => {
      const whose = ids.length > 1 ? `${id} ` : ''
      const own: [string, string] = [id, capital(`${whose}screw`)]
      const band: [string, string] = [`${id}_deadband`, capital(`${whose}deadband screw`)]
      return points[at]?.deadband === 'adjustable' ? [band, own] : [own]
    })
    .reverse()
}

const capital = (words: string) => words[0]!.toUpperCase() + words.slice(1)
