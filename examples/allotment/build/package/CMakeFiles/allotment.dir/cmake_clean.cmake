file(REMOVE_RECURSE
  "CMakeFiles/allotment.dir/src/main.cpp.o"
  "CMakeFiles/allotment.dir/src/main.cpp.o.d"
  "allotment"
  "allotment.pdb"
)

# Per-language clean rules from dependency scanning.
foreach(lang CXX)
  include(CMakeFiles/allotment.dir/cmake_clean_${lang}.cmake OPTIONAL)
endforeach()
