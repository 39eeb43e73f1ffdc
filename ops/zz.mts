import { scoreLead } from '../core/bench/leadScore'
console.log(scoreLead(60, 15000))
