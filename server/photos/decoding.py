"""A picture looked at before it is kept: that it is one, whole, and not so many points that it fills the memory."""

import warnings
from io import BytesIO

from PIL import Image, UnidentifiedImageError

from base.problems import Refused

_LARGEST_BYTES = 4 * 1024 * 1024
_MOST_PIXELS = 40_000_000
"""What a large camera takes; devices make them smaller before they send them."""
_KINDS = {"JPEG": "image/jpeg", "PNG": "image/png"}


def kind_of(content: bytes) -> str:
    """Its media type. Raises Refused for what is no picture, or one too large to be looked at."""
    if len(content) > _LARGEST_BYTES:
        raise Refused(("image", f"is larger than {_LARGEST_BYTES // 1024**2} MB"))
    with warnings.catch_warnings():
        warnings.simplefilter("error", Image.DecompressionBombWarning)
        try:
            image = Image.open(BytesIO(content), formats=tuple(_KINDS))
            kind, pixels = _KINDS[image.format or ""], image.width * image.height
            if pixels > _MOST_PIXELS:
                raise Refused(("image", f"has {pixels} points; {_MOST_PIXELS} are the most"))
            image.load()
        except UnidentifiedImageError:
            raise Refused(("image", "must be a JPEG or PNG picture")) from None
        except (Image.DecompressionBombError, Image.DecompressionBombWarning):
            raise Refused(("image", f"has more points than {_MOST_PIXELS}, which are the most")) from None
        except (OSError, ValueError, SyntaxError, KeyError):
            raise Refused(("image", "is a picture that is cut off or broken; take another")) from None
    return kind
