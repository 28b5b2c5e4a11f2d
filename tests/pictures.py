"""Comparing pictures, by ImageMagick."""
import subprocess


def size_of(picture):
    out = subprocess.run(["identify", "-format", "%w %h", picture], stdout=subprocess.PIPE, text=True, check=True)
    return tuple(int(word) for word in out.stdout.split())


def differing_pixels(a, b):
    ran = subprocess.run(["compare", "-metric", "AE", a, b, "null:"], stderr=subprocess.PIPE, text=True, check=False)
    return float(ran.stderr.split()[0])


def fingerprints(pictures, *changes):
    """One for each picture, the same for those whose pixels are the same."""
    out = subprocess.run(["convert", *pictures, *changes, "+repage", "-alpha", "off", "-format", "%#\\n", "info:"],
                         stdout=subprocess.PIPE, text=True, check=True)
    return out.stdout.split()


def cut_canvas(shown, canvas, output):
    """The middle of a picture: a canvas of this size at the largest whole multiple that fits."""
    size = size_of(shown)
    scale = min(size[0] // canvas[0], size[1] // canvas[1])
    part = (canvas[0] * scale, canvas[1] * scale)
    left, top = (size[0] - part[0]) // 2, (size[1] - part[1]) // 2
    subprocess.run(["convert", shown, "-crop", f"{part[0]}x{part[1]}+{left}+{top}", "+repage", output], check=True)
    return part


def enlarge(picture, size, output):
    subprocess.run(["convert", picture, "-filter", "point", "-resize", f"{size[0]}x{size[1]}!", output], check=True)


def lightness(picture):
    """From 0 to 1, over all of it."""
    out = subprocess.run(["convert", picture, "-background", "gray", "-flatten", "-format", "%[fx:mean]", "info:"],
                         stdout=subprocess.PIPE, text=True, check=True)
    return float(out.stdout)
