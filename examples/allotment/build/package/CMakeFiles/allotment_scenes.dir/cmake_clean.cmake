file(REMOVE_RECURSE
  "CMakeFiles/allotment_scenes.dir/src/allotment.cpp.o"
  "CMakeFiles/allotment_scenes.dir/src/allotment.cpp.o.d"
  "CMakeFiles/allotment_scenes.dir/src/beds.cpp.o"
  "CMakeFiles/allotment_scenes.dir/src/beds.cpp.o.d"
  "CMakeFiles/allotment_scenes.dir/src/finish.cpp.o"
  "CMakeFiles/allotment_scenes.dir/src/finish.cpp.o.d"
  "CMakeFiles/allotment_scenes.dir/src/harvest.cpp.o"
  "CMakeFiles/allotment_scenes.dir/src/harvest.cpp.o.d"
  "CMakeFiles/allotment_scenes.dir/src/title.cpp.o"
  "CMakeFiles/allotment_scenes.dir/src/title.cpp.o.d"
  "liballotment_scenes.a"
  "liballotment_scenes.pdb"
)

# Per-language clean rules from dependency scanning.
foreach(lang CXX)
  include(CMakeFiles/allotment_scenes.dir/cmake_clean_${lang}.cmake OPTIONAL)
endforeach()
