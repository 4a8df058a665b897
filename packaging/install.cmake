# What an installation consists of, and where it lies. Parts that are no programs of their own lie in lib/orthema.
include(GNUInstallDirs)
set(ORTHEMA_ID org.orthema.Orthema)
install(TARGETS orthema orthema-cli orthema-press RUNTIME DESTINATION bin)
install(TARGETS orthema-reader RUNTIME DESTINATION lib/orthema)
install(TARGETS orthema_heavy orthema_vision LIBRARY DESTINATION lib/orthema/parts)  # one folder down: ldconfig has no business with them

set(made ${CMAKE_BINARY_DIR}/install)
file(MAKE_DIRECTORY ${made})
find_program(RSVG_CONVERT rsvg-convert)
# a drawing of ours as an icon of that kind, in all sizes and as it was drawn
function(install_icon kind drawing name)
  set(svg ${CMAKE_SOURCE_DIR}/resources/icons/${drawing}.svg)
  install(FILES ${svg} DESTINATION share/icons/hicolor/scalable/${kind} RENAME ${name}.svg)
  if(NOT RSVG_CONVERT)
    return()
  endif()
  foreach(size 16 22 24 32 48 64 128 256 512)
    set(png ${made}/${name}-${size}.png)
    add_custom_command(OUTPUT ${png} DEPENDS ${svg} COMMAND ${RSVG_CONVERT} -w ${size} -h ${size} ${svg} -o ${png})
    install(FILES ${png} DESTINATION share/icons/hicolor/${size}x${size}/${kind} RENAME ${name}.png)
    list(APPEND MADE_ICONS ${png})
  endforeach()
  set(MADE_ICONS ${MADE_ICONS} PARENT_SCOPE)
endfunction()
install_icon(apps orthema ${ORTHEMA_ID})
install_icon(mimetypes orthema-order application-x-orthema-order)
install(FILES packaging/linux/${ORTHEMA_ID}.desktop DESTINATION share/applications)
install(FILES packaging/linux/${ORTHEMA_ID}.metainfo.xml DESTINATION share/metainfo)
install(FILES packaging/linux/orthema.xml DESTINATION share/mime/packages)

# the command line's own description is where its page and its completion come from
add_custom_command(OUTPUT ${made}/orthema-cli.1 ${made}/orthema-cli DEPENDS orthema-cli
  COMMAND orthema-cli --man-page > ${made}/orthema-cli.1
  COMMAND orthema-cli --bash-completion > ${made}/orthema-cli)
find_program(GZIP gzip REQUIRED)
foreach(page ${CMAKE_SOURCE_DIR}/packaging/linux/orthema.1 ${CMAKE_SOURCE_DIR}/packaging/linux/orthema-press.1 ${made}/orthema-cli.1)
  get_filename_component(name ${page} NAME)
  add_custom_command(OUTPUT ${made}/man/${name}.gz DEPENDS ${page}
    COMMAND ${CMAKE_COMMAND} -E make_directory ${made}/man
    COMMAND ${GZIP} -9nc ${page} > ${made}/man/${name}.gz)
  list(APPEND MADE_PAGES ${made}/man/${name}.gz)
  install(FILES ${made}/man/${name}.gz DESTINATION share/man/man1)
endforeach()
install(FILES ${made}/orthema-cli DESTINATION share/bash-completion/completions)
add_custom_target(install_parts ALL DEPENDS ${MADE_ICONS} ${MADE_PAGES} ${made}/orthema-cli ${made}/changelog.gz)

add_custom_command(OUTPUT ${made}/changelog.gz DEPENDS ${CMAKE_SOURCE_DIR}/packaging/linux/changelog
  COMMAND ${GZIP} -9nc ${CMAKE_SOURCE_DIR}/packaging/linux/changelog > ${made}/changelog.gz)
install(FILES packaging/linux/copyright ${made}/changelog.gz DESTINATION share/doc/orthema)
install(DIRECTORY docs/ DESTINATION share/doc/orthema PATTERN "screenshots" EXCLUDE PATTERN "manual" EXCLUDE PATTERN "decisions.md" EXCLUDE)
# the manual: its pages, and the pictures of the main views; the same beside the program as it was built
install(DIRECTORY docs/manual DESTINATION share/orthema)
install(DIRECTORY docs/screenshots/ DESTINATION share/orthema/manual/pictures)
file(GLOB MANUAL CONFIGURE_DEPENDS docs/manual/*.md docs/screenshots/*.png)
add_custom_command(OUTPUT ${CMAKE_BINARY_DIR}/manual/made DEPENDS ${MANUAL}
  COMMAND ${CMAKE_COMMAND} -E rm -rf ${CMAKE_BINARY_DIR}/manual
  COMMAND ${CMAKE_COMMAND} -E copy_directory ${CMAKE_SOURCE_DIR}/docs/manual ${CMAKE_BINARY_DIR}/manual
  COMMAND ${CMAKE_COMMAND} -E copy_directory ${CMAKE_SOURCE_DIR}/docs/screenshots ${CMAKE_BINARY_DIR}/manual/pictures
  COMMAND ${CMAKE_COMMAND} -E touch ${CMAKE_BINARY_DIR}/manual/made)
add_custom_target(manual ALL DEPENDS ${CMAKE_BINARY_DIR}/manual/made)
add_dependencies(orthema_app manual)
install(DIRECTORY demo/ DESTINATION share/orthema/demo PATTERN "src" EXCLUDE PATTERN "*~" EXCLUDE)

# the package
set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME orthema)
set(CPACK_PACKAGE_CONTACT "The Orthema team <team@orthema.invalid>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "size, place and nest transfers, and print press guides")
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION "Orthema takes an order and its artwork and works out how wide each design is on
each garment size and where it sits, lays the transfers on film or paper, and
prints the guides that the hand at the press needs. It keeps records of where
pieces landed and proposes what to correct.")
set(CPACK_DEBIAN_PACKAGE_SECTION graphics)
set(CPACK_DEBIAN_PACKAGE_PRIORITY optional)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_RECOMMENDS "qt6-wayland, qt6-qpa-plugins")
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_COMPRESSION_TYPE xz)
set(CPACK_STRIP_FILES ON)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS OWNER_READ OWNER_WRITE OWNER_EXECUTE GROUP_READ GROUP_EXECUTE WORLD_READ WORLD_EXECUTE)
set_target_properties(orthema_heavy orthema_vision PROPERTIES NO_SONAME ON)  # parts of the program, no libraries for others
include(CPack)
