#!/bin/sh
# Writes a man page of the program and one of each of its commands, from what they say of themselves.
#   man_pages.sh PROGRAM FOLDER
set -eu
here=$(cd "$(dirname "$0")" && pwd)
program=$1
mkdir -p "$2"
NO_COLOR=1
COLUMNS=100
export NO_COLOR COLUMNS
version=$("$program" --version | awk '{ print $2 }')
commands=$("$program" --help | awk '/^Subcommands:/ { on = 1; next } /^[^ ]/ { on = 0 } on && /^  [a-z]/ { print $1 }')
page() {
  awk -v name="$1" -v version="$version" -f "$here/man_page.awk"
}
for command in $commands; do
  {
    "$program" "$command" --help | page "ninepegs-$command"
    printf '.SH SEE ALSO\n.BR ninepegs (1)\n'
  } >"$2/ninepegs-$command.1"
done
{
  "$program" --help | page ninepegs
  cat "$here/man_tail.roff"
  printf '.SH SEE ALSO\n'
  for command in $commands; do echo ".BR ninepegs-$command (1),"; done | sed '$s/,$//'
} >"$2/ninepegs.1"
