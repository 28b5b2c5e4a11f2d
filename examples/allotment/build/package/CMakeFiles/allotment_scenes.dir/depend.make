# Empty dependencies file for allotment_scenes.
# This may be replaced when dependencies are built.
