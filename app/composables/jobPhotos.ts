import { PhotoView, type PhotoOf } from '#core/http/photos'
import type { Asked } from './ask'

const Photos = PhotoView.array()

/** A job's photographs: seen, taken, taken off, with what went wrong said. */
export function useJobPhotos(job: number) {
  const photos = shallowRef<PhotoView[] | null>(null)
  const trouble = ref('')
  const busy = ref(false)
  const urlOf = (p: PhotoView) => `/api/jobs/${job}/photos/${p.id}`
  async function told(asking: Promise<Asked<PhotoView[]>>, offline: string): Promise<boolean> {
    busy.value = true
    const a = await asking
    busy.value = false
    trouble.value = a.is === 'offline' ? `The server cannot be reached: ${offline}` : sayTrouble(a)
    if (a.is === 'done') photos.value = a.value
    return a.is === 'done'
  }
  const take = (of: PhotoOf, picture: Blob) =>
    told(
      askWithFile(Photos, `/api/jobs/${job}/photos?of=${of}`, picture),
      'the photograph was not kept. Take it again when it is back',
    )
  const takeOff = (p: PhotoView) =>
    told(ask(Photos, urlOf(p), { method: 'DELETE' }), 'the photograph is still there. Take it off when it is back')
  onMounted(async () => {
    const a = await ask(Photos, `/api/jobs/${job}/photos`)
    // one taken meanwhile has said what became of it already
    if (a.is === 'done') photos.value ??= a.value
    else trouble.value ||= sayTrouble(a)
  })
  return { photos, trouble, busy, urlOf, take, takeOff }
}
export type JobPhotos = ReturnType<typeof useJobPhotos>
