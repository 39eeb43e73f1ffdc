/** The file that was just chosen or taken; the same one can be chosen again. */
export function pickedFile(event: Event): File | null {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0] ?? null
  input.value = ''
  return file
}
