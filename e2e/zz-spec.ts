const stages = ['Measure', 'Layers', 'Paper', 'Sheets', 'Depth', 'Assembly', 'Journal']
export default { demo: 'Harbour at dusk', size: [640, 400], views: stages.map((stage) => ({ stage })), out: '/tmp/shots/small.png', cols: 2, cell: 640 }
