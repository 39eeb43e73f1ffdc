import { scoreSide } from '#core/bench/sightScore'
const [n, seed] = process.argv.slice(2).map(Number)
console.log(JSON.stringify(scoreSide(n!, seed!)))
