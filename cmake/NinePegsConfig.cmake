# find_package(NinePegs) gives the target ninepegs::core: the library without commands and drawing.
include(CMakeFindDependencyMacro)
find_dependency(fmt)
find_dependency(Boost)
find_dependency(Threads)
if(NOT TARGET Boost::headers)
  add_library(Boost::headers INTERFACE IMPORTED)
endif()
include(${CMAKE_CURRENT_LIST_DIR}/NinePegsTargets.cmake)
