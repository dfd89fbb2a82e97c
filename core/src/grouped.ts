/** Adds a value to the list a map holds for a key, which it makes where there is none. Takes no longer for long lists. */
export function addTo<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
