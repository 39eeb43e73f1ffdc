import { askBeside, sideCamera } from '#core/bench/sideBench'
import { degrees } from '#core/quantity/angle'
import { measureFromSide } from '#core/sight/fromSide'
import { teethFinder } from '#core/sight/tipsBeside'
for (const seed of process.argv.slice(2).map(Number)) {
  const { scene, ask, look } = askBeside(seed)
  const cam = sideCamera(scene, seed)
  const besides = teethFinder(look)(ask)
  const m = measureFromSide({ ...ask, besides })
  console.log(seed, 'yaw', degrees(cam.pose.yaw + Math.PI / 2).toFixed(1), 'pitch', degrees(cam.pose.pitch).toFixed(1), 'teeth', scene.sprocket.teeth, scene.pulley.teeth, 'lean', scene.bike.leanDeg.toFixed(1), 'offset', scene.bike.offsetMm.toFixed(1), 'gap', scene.bike.gapMm.toFixed(1), JSON.stringify(m), 'tipR', scene.sprocket.radiusMm.toFixed(2), 'pulR', scene.pulley.radiusMm.toFixed(2), JSON.stringify((globalThis as any).X))
}
