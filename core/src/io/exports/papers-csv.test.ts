import { describe, expect, it } from 'vitest'
import { starterStock } from '../../stages/paper'
import { papersFromCsv, papersToCsv } from './index'

const stock = starterStock()

describe('the drawer as a table', () => {
  it('comes back as it went out, off-cuts and all', () => {
    const kept = stock.map((p, i) =>
      i === 0
        ? { ...p, note: 'top shelf, "left"', offCuts: [{ id: 'o', label: 'o', path: 'M0 0L9 0L9 9Z' }] }
        : p,
    )
    expect(papersFromCsv(papersToCsv(kept), kept)).toEqual({ papers: kept, wrong: [] })
    const dashed = stock.map((p) => ({ ...p, note: '- for skies', shop: '=corner' }))
    expect(papersFromCsv(papersToCsv(dashed), dashed)).toEqual({ papers: dashed, wrong: [] })
  })

  it('takes rows from elsewhere: commas for points, missing columns, new papers', () => {
    const { papers, wrong } = papersFromCsv(
      '\ufeffName,Count,Thickness mm\nShell,9,"0,31"\nMarram,3,\n',
      stock,
    )
    expect(wrong).toEqual([])
    expect(papers.find((p) => p.name === 'Shell')).toMatchObject({
      count: 9,
      thicknessMm: 0.31,
      id: stock[0]!.id,
    })
    expect(papers.at(-1)).toMatchObject({ id: 'paper-marram', name: 'Marram', count: 3, finish: 'smooth' })
    expect(papers).toHaveLength(stock.length + 1)
  })

  it('reads weights by the pound, and takes the thickness of finish and weight where none is given', () => {
    const { papers, wrong } = papersFromCsv(
      'name,gsm,finish,thickness mm\nMarram,110 lb,,\nBladderwrack,176,,0.3\nFoambow,50 lb text,,\nFoil,,glitter,\nShell,100 lb,,\n',
      stock,
    )
    expect(wrong).toEqual([])
    // 110 × 2.704 and 50 × 1.48; smooth of 297 gsm lies between 0.35 at 270 and 0.40 at 300, to a hundredth.
    expect(papers.slice(-4).map(({ gsm, thicknessMm }) => [gsm, thicknessMm])).toEqual([
      [297, 0.4],
      [176, 0.3],
      [74, 0.1],
      [216, 0.42],
    ])
    // As thick as such mostly are, the drawer's own paper follows its weight.
    expect(papers.find(({ name }) => name === 'Shell')).toMatchObject({ gsm: 270, thicknessMm: 0.35 })
  })

  it('tells sheets of one paper by their size, and takes a changed size for a mend where there is but one', () => {
    const small = { ...stock[0]!, id: 'small', widthMm: 210, heightMm: 297, perPack: 10 }
    const both = [...stock, small]
    expect(papersFromCsv(papersToCsv(both), both)).toEqual({ papers: both, wrong: [] })
    const { papers } = papersFromCsv(
      'name,width mm,height mm,count\nShell,210,297,7\nShell,148,210,5\n',
      both,
    )
    expect(papers.map((p) => [p.id, p.name, p.count]).filter(([, name]) => name === 'Shell')).toEqual([
      [stock[0]!.id, 'Shell', stock[0]!.count],
      ['small', 'Shell', 7],
      ['paper-shell-2', 'Shell', 5],
    ])
    expect(papersFromCsv('name,width mm\nShell,300\n', stock).papers[0]).toMatchObject({
      id: stock[0]!.id,
      widthMm: 300,
    })
  })

  it('names rows that cannot be read and takes the rest', () => {
    const { papers, wrong } = papersFromCsv(
      'name,count,finish,colour\nShell,many,,\nTern,1,feathered,\nGull,1,,grey\nSkua,2,,#303030\n,1,,\n',
      stock,
    )
    expect(wrong).toEqual([
      'Row 2 (Shell): “count” is “many”, which is no number.',
      expect.stringMatching(/^Row 3 \(Tern\): “finish” is “feathered”; it can be smooth, /),
      'Row 4 (Gull): “colour” is “grey”: a colour is written #rrggbb.',
      'Row 6: “name” is missing.',
    ])
    expect(papers.map((p) => p.name).slice(-1)).toEqual(['Skua'])
    expect(papers.find((p) => p.name === 'Shell')).toEqual(stock[0])
    expect(papersFromCsv('a,b\n1,2\n', stock)).toEqual({
      papers: stock,
      wrong: ['There is no column “name”: is this a table of papers?'],
    })
  })
})
