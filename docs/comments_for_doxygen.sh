#!/bin/sh
# Gives a header to doxygen: plain comments become those it reads. What begins a file is about the file; indented
# examples are code.
case "$1" in
  *.hpp) ;;
  *) cat "$1"; exit ;;
esac
awk -v file="$1" '
  BEGIN { head = 1; print "/// @file" }
  {
    line = $0
    # Between backquotes and in examples nothing is a command of doxygen.
    if (match(line, /^[ ]*\/\//)) {
      gsub(/@/, "\\@", line); gsub(/\\0/, "\\\\0", line); gsub(/</, "\\<", line); gsub(/#/, "\\#", line)
      sub(/\/\//, "///", line)
      print line
      next
    }
    if (head && line !~ /^[ ]*\/\//) { head = 0; print "" }
    if (match(line, /[;,{}] +\/\/ /)) {
      code = substr(line, 1, RSTART)
      note = substr(line, RSTART + 1)
      gsub(/@/, "\\@", note); gsub(/</, "\\<", note); gsub(/#/, "\\#", note)
      sub(/\/\//, "///<", note)
      print code note
      next
    }
    print line
  }' "$1"
