# Open CASCADE by its libraries, not by its package file: that one names every toolkit's own dependencies (fontconfig, X11,
# TBB) whether used or not.
find_path(OPENCASCADE_INCLUDES Standard_Version.hxx PATH_SUFFIXES opencascade REQUIRED)
function(weightaxis_link_opencascade target)
  foreach(toolkit ${ARGN})
    find_library(OPENCASCADE_${toolkit} ${toolkit} REQUIRED)
    target_link_libraries(${target} PRIVATE ${OPENCASCADE_${toolkit}})
  endforeach()
  target_include_directories(${target} SYSTEM PRIVATE ${OPENCASCADE_INCLUDES})
endfunction()
