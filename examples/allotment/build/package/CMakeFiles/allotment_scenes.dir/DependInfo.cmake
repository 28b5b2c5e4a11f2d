
# Consider dependencies only in project.
set(CMAKE_DEPENDS_IN_PROJECT_ONLY OFF)

# The set of languages for which implicit dependencies are needed:
set(CMAKE_DEPENDS_LANGUAGES
  )

# The set of dependency files which are needed:
set(CMAKE_DEPENDS_DEPENDENCY_FILES
  "/work/main/examples/allotment/src/allotment.cpp" "CMakeFiles/allotment_scenes.dir/src/allotment.cpp.o" "gcc" "CMakeFiles/allotment_scenes.dir/src/allotment.cpp.o.d"
  "/work/main/examples/allotment/src/beds.cpp" "CMakeFiles/allotment_scenes.dir/src/beds.cpp.o" "gcc" "CMakeFiles/allotment_scenes.dir/src/beds.cpp.o.d"
  "/work/main/examples/allotment/src/finish.cpp" "CMakeFiles/allotment_scenes.dir/src/finish.cpp.o" "gcc" "CMakeFiles/allotment_scenes.dir/src/finish.cpp.o.d"
  "/work/main/examples/allotment/src/harvest.cpp" "CMakeFiles/allotment_scenes.dir/src/harvest.cpp.o" "gcc" "CMakeFiles/allotment_scenes.dir/src/harvest.cpp.o.d"
  "/work/main/examples/allotment/src/title.cpp" "CMakeFiles/allotment_scenes.dir/src/title.cpp.o" "gcc" "CMakeFiles/allotment_scenes.dir/src/title.cpp.o.d"
  )

# Targets to which this target links.
set(CMAKE_TARGET_LINKED_INFO_FILES
  )

# Fortran module output directory.
set(CMAKE_Fortran_TARGET_MODULE_DIR "")
