# Words as one would type them: quoted only where they have to be. Sourced by scenes.
quoted() {
  for word in "$@"; do
    case $word in *[!A-Za-z0-9_./:%=-]*) printf ' %s' "${word@Q}" ;; *) printf ' %s' "$word" ;; esac
  done
}
