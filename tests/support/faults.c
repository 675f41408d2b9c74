/* Faults of the file system for tests, put before the C library (LD_PRELOAD). TALVIK_FAULT is "call:n:errno":
   the n-th call of that kind on a part of an output file fails so; what is written goes out in small pieces. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <unistd.h>

static int is_part(const char* name) {
    const size_t n = strlen(name);
    return n > 5 && strcmp(name + n - 5, ".part") == 0;
}
static int fd_is_part(int fd) {
    char link[64], name[4096];
    snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
    const ssize_t n = readlink(link, name, sizeof name - 1);
    if (n <= 0) return 0;
    name[n] = 0;
    return is_part(name);
}
static int fails(const char* call) {
    static int counted = 0;
    const char* wish = getenv("TALVIK_FAULT");
    char kind[32];
    int at = 0, code = 0;
    if (!wish || sscanf(wish, "%31[^:]:%d:%d", kind, &at, &code) != 3 || strcmp(kind, call) != 0) return 0;
    if (++counted != at) return 0;
    errno = code;
    return 1;
}
#define REAL(type, name) ((type)dlsym(RTLD_NEXT, name))

ssize_t write(int fd, const void* bytes, size_t n) {
    if (getenv("TALVIK_FAULT") && fd_is_part(fd)) {
        if (fails("write")) return -1;
        if (n > 1024) n = 1024;
    }
    return REAL(ssize_t(*)(int, const void*, size_t), "write")(fd, bytes, n);
}
int fsync(int fd) {
    if (fd_is_part(fd) && fails("fsync")) return -1;
    return REAL(int (*)(int), "fsync")(fd);
}
int rename(const char* from, const char* to) {
    if (is_part(from) && fails("rename")) return -1;
    return REAL(int (*)(const char*, const char*), "rename")(from, to);
}
int mkostemps(char* name, int suffix, int flags) {
    if (fails("create")) return -1;
    return REAL(int (*)(char*, int, int), "mkostemps")(name, suffix, flags);
}
