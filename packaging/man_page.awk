# A man page from what --help prints: awk -v name=ninepegs-count -v version=0.1.0 -f man_page.awk
# Lines without indent that end with a colon begin sections; in them, a word and its sentence are
# apart by two blanks or more, and sentences go on in lines that begin further in.
function safe(text) {
  gsub(/\\/, "\\e", text)
  gsub(/-/, "\\-", text)
  if (text ~ /^[.']/) text = "\\&" text
  return text
}
function section(title) {
  print ".SH " toupper(title)
  inCode = title ~ /^Example/
}
NR == 1 {
  what = $0
  sub(/\.$/, "", what)
  printf ".TH %s 1 \"\" \"Nine Pegs %s\" \"User Commands\"\n", toupper(safe(name)), version
  print ".SH NAME"
  print safe(name) " \\- " safe(what)
  next
}
/^Usage: / {
  section("SYNOPSIS")
  print ".B " safe(substr($0, 8))
  section("DESCRIPTION")
  print safe(what) "."
  next
}
/^[A-Z][a-z]+:$/ {
  section(substr($0, 1, length($0) - 1))
  next
}
/^Example: / {
  section("EXAMPLE")
  print ".nf"
  print safe(substr($0, 10))
  print ".fi"
  next
}
/^$/ { next }
/^[^ ]/ {  # a sentence of its own
  if (!notes) section("NOTES")
  else print ".PP"
  notes = 1
  print safe($0)
  next
}
inCode {
  print ".PP\n.nf"
  print safe(substr($0, 3))
  print ".fi"
  next
}
/^   / {
  sub(/^ +/, "")
  print safe($0)
  next
}
{
  line = substr($0, 3)
  at = match(line, /  +/)
  word = at ? substr(line, 1, at - 1) : line
  print ".TP"
  print ".B " safe(word)
  if (at) print safe(substr(line, at + RLENGTH))
}
