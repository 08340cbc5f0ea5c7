# The examples in the headers' first comments, one function each: what compiles is true. Lines of an
# example begin with three blanks; what ends in neither `;` nor `}` is no code.
FNR == 1 { block = ""; last = ""; done = 0 }
done { next }
/^\/\/   / {
  line = substr($0, 6)
  block = block "  " line "\n"
  last = line
  sub(/ *\/\/.*$/, "", last)
}
/^#pragma once/ {
  done = 1
  if (last !~ /[;}]$/) next
  name = FILENAME
  sub(/.*\/src\//, "", name)
  includes = includes "#include \"" name "\"\n"
  functions = functions "\n// " name "\nvoid example" ++number "() {\n" block "}\n"
}
END {
  print includes
  print "#include \"support/example_names.hpp\"\n"
  print "namespace ninepegs::examples {"
  print functions
  print "int count() { return " number "; }\n\n}  // namespace ninepegs::examples"
}
