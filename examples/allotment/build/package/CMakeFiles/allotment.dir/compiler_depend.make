# Empty compiler generated dependencies file for allotment.
# This may be replaced when dependencies are built.
