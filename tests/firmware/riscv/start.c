/* A program on qemu's RISC-V board "virt": start, and the system by semihosting. */
#include <stdint.h>
#include <stdio.h>

enum { OPEN = 0x01, WRITE = 0x05, READ = 0x06, EXIT = 0x18, EXITED = 0x20026 };

int main(void);
void begin(void);
static uintptr_t handles[2];

static uintptr_t ask(uintptr_t what, const void *about)
{
    register uintptr_t a0 __asm__("a0") = what;
    register const void *a1 __asm__("a1") = about;
    __asm__ volatile(".option push\n.option norvc\n.balign 16\nslli zero, zero, 0x1f\nebreak\nsrai zero, zero, 7\n.option pop"
                     : "+r"(a0) : "r"(a1) : "memory");
    return a0;
}

size_t fread(void *to, size_t size, size_t count, void *file)
{
    const uintptr_t about[3] = {handles[(uintptr_t)file], (uintptr_t)to, size * count};
    return count - ask(READ, about) / size;
}

size_t fwrite(const void *from, size_t size, size_t count, void *file)
{
    const uintptr_t about[3] = {handles[(uintptr_t)file], (uintptr_t)from, size * count};
    return count - ask(WRITE, about) / size;
}

void begin(void)
{
    for (uintptr_t mode = 0; mode < 2; mode++) {
        const uintptr_t about[3] = {(uintptr_t)":tt", mode * 4u, 3u};
        handles[mode] = ask(OPEN, about);
    }
    ask(EXIT, (const void *)(uintptr_t)(main() == 0 ? EXITED : 0x20023));
    for (;;) {
    }
}

__asm__(".section .start, \"ax\"\n.globl _start\n_start:\nla sp, stack_top\nla t0, bss_start\nla t1, bss_end\n"
        "1: bgeu t0, t1, 2f\nsw zero, 0(t0)\naddi t0, t0, 4\nj 1b\n2: j begin\n.text\n");
