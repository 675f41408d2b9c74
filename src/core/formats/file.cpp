#include "formats/file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/mman.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <fstream>

#include "formats/encoding.h"

namespace talvik::formats {

FileText readFile(const std::string& path, std::size_t limit) {
    struct stat info {};
    if (stat(path.c_str(), &info) != 0)
        return {{}, fmt::format("{} cannot be read: {}.", path, std::strerror(errno))};
    if (S_ISDIR(info.st_mode)) return {{}, fmt::format("{} is a folder; name a file.", path)};
    if (static_cast<std::size_t>(info.st_size) > limit)
        return {{},
                fmt::format("{} is larger than {} MB; it cannot be a file of this kind.", path, limit >> 20)};
    std::ifstream in(path, std::ios::binary);
    std::string text(static_cast<std::size_t>(info.st_size), '\0');
    in.read(text.data(), static_cast<std::streamsize>(text.size()));
    text.resize(static_cast<std::size_t>(in.gcount()));
    if (in.bad() || !in.is_open())
        return {{}, fmt::format("{} cannot be read: {}.", path, std::strerror(errno))};
    return {std::move(text), {}};
}

FileText readTable(const std::string& path) {
    auto file = readFile(path);
    file.text = asUtf8(file.text);
    return file;
}

namespace {

namespace fs = std::filesystem;

constexpr const char* ending = ".part";
constexpr int random = 6;                          // letters that mkostemps makes up
constexpr auto killed = std::chrono::minutes(10);  // nothing is being written for so long

// What links lead to, also where nothing is there yet.
std::string followed(const std::string& path) {
    fs::path p = path;
    std::error_code trouble;
    for (int i = 0; i < 40 && fs::is_symlink(fs::symlink_status(p, trouble)); ++i) {
        const fs::path to = fs::read_symlink(p, trouble);
        if (trouble) break;
        p = to.is_absolute() ? to : p.parent_path() / to;
    }
    return p.string();
}
std::string folderOf(const std::string& path) {
    const std::string folder = fs::path(path).parent_path().string();
    return folder.empty() ? "." : folder;
}
std::string partOf(const std::string& path) {
    const fs::path p(path);
    return (p.parent_path() / ("." + p.filename().string() + ".")).string();
}

bool writeAll(int file, std::string_view bytes) {
    for (std::size_t done = 0; done < bytes.size();) {
        const ssize_t n = write(file, bytes.data() + done, bytes.size() - done);
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) {
            if (n == 0) errno = ENOSPC;
            return false;
        }
        done += static_cast<std::size_t>(n);
    }
    return true;
}

// Parts of runs that were killed while they wrote this file.
void clean(const std::string& path) {
    std::error_code trouble;
    const std::string begins = fs::path(partOf(path)).filename().string();
    const std::size_t length = begins.size() + random + std::strlen(ending);
    for (const auto& entry : fs::directory_iterator(folderOf(path), trouble)) {
        const std::string name = entry.path().filename().string();
        if (name.size() != length || !name.starts_with(begins) || !name.ends_with(ending)) continue;
        if (!entry.is_regular_file(trouble) || entry.is_symlink(trouble)) continue;
        const auto written = entry.last_write_time(trouble);
        if (!trouble && fs::file_time_type::clock::now() - written > killed)
            fs::remove(entry.path(), trouble);
    }
}

std::string refused(const std::string& path, const struct stat& old) {
    if (S_ISDIR(old.st_mode)) return fmt::format("{} is a folder; name a file.", path);
    if (S_ISREG(old.st_mode) && ((old.st_mode & 0222) == 0 || access(path.c_str(), W_OK) != 0))
        return fmt::format("{} is read-only; write to another name, or allow writing to it.", path);
    return {};
}

}  // namespace

std::string whyNotWritable(const std::string& path) {
    const std::string to = followed(path);
    struct stat info {};
    if (stat(to.c_str(), &info) == 0) {
        if (auto why = refused(to, info); !why.empty()) return why;
        if (!S_ISREG(info.st_mode)) return {};
    }
    const std::string folder = folderOf(to);
    if (stat(folder.c_str(), &info) != 0 || !S_ISDIR(info.st_mode))
        return fmt::format("{} cannot be written: there is no folder {}.", path, folder);
    if (access(folder.c_str(), W_OK | X_OK) != 0)
        return fmt::format("{} cannot be written: {} allows no new files.", path, folder);
    return {};
}

std::string writeFile(const std::string& path, std::string_view bytes, bool flush) {
    auto failed = [&] { return fmt::format("{} cannot be written: {}.", path, std::strerror(errno)); };
    const std::string to = followed(path);
    struct stat old {};
    const bool there = stat(to.c_str(), &old) == 0;
    if (there) {
        if (auto why = refused(to, old); !why.empty()) return why;
        if (!S_ISREG(old.st_mode)) {  // a device or a pipe: through it
            const int file = open(to.c_str(), O_WRONLY | O_CLOEXEC);
            if (file < 0) return failed();
            std::string why;
            if (!writeAll(file, bytes)) why = failed();
            if (close(file) != 0 && why.empty()) why = failed();
            return why;
        }
    }
    clean(to);
    std::string temporary = partOf(to) + std::string(random, 'X') + ending;
    const int file = mkostemps(temporary.data(), int(std::strlen(ending)), O_CLOEXEC);
    if (file < 0) return failed();
    mode_t mode = old.st_mode & 07777;
    if (!there) {
        const mode_t mask = umask(0);
        umask(mask);
        mode = 0666 & ~mask;
    }
    // Before the permissions, which a change of owner may take away; not everyone may give files away.
    if (there && (old.st_uid != geteuid() || old.st_gid != getegid()) &&
        fchown(file, old.st_uid, old.st_gid) != 0)
        errno = 0;
    bool good = fchmod(file, mode) == 0 && writeAll(file, bytes) && (!flush || fsync(file) == 0);
    std::string why;
    if (!good) why = failed();
    if (close(file) != 0 && why.empty()) why = failed();
    if (why.empty() && rename(temporary.c_str(), to.c_str()) != 0) why = failed();
    if (!why.empty()) {
        unlink(temporary.c_str());
        return why;
    }
    // The new name itself; a file system that cannot do so has written all the same.
    if (!flush) return {};
    if (const int folder = open(folderOf(to).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC); folder >= 0) {
        fsync(folder);
        close(folder);
    }
    return {};
}

MemoryFile::MemoryFile() : file_(memfd_create("talvik", MFD_CLOEXEC)) {}
MemoryFile::~MemoryFile() {
    if (file_ >= 0) close(file_);
}
std::string MemoryFile::path() const {
    return fmt::format("/proc/self/fd/{}", file_);
}
FileText MemoryFile::content() const {
    return readFile(path(), std::size_t(4) << 30);
}

std::string numbered(const std::string& path, std::size_t number, std::size_t of) {
    if (of < 2) return path;
    const std::filesystem::path p(path);
    auto name = p.stem();
    name += "-" + std::to_string(number);
    name += p.extension();
    return (p.parent_path() / name).string();
}

}  // namespace talvik::formats
