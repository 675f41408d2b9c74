// Letters of files whose encoding nobody knows.
#pragma once

#include <string>
#include <string_view>

namespace talvik::formats {

// Whether it is UTF-8 (RFC 3629): no overlong forms, no surrogates, nothing cut off.
bool isUtf8(std::string_view bytes);
// Appends a character in UTF-8; one that is none becomes U+FFFD.
void putUtf8(std::string& out, unsigned code);
// The character at `i` of text that is UTF-8, and `i` behind it.
unsigned takeUtf8(std::string_view text, std::size_t& i);
// The one or two units of UTF-16 (RFC 2781) that a character is.
std::u16string utf16(unsigned code);
// Bytes as UTF-8: as they are where they are that already, from UTF-16 where they begin with its mark or
// every other byte of their beginning is nought, else as Western European letters (the code page 1252 of
// Windows). Control characters but ends of lines and tabs become spaces.
std::string asUtf8(std::string_view bytes);

}  // namespace talvik::formats
