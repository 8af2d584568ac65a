/* What packages in Rust ask Windows for, and older versions of wine lack: random bytes. */
#include <windows.h>

BOOLEAN NTAPI SystemFunction036(PVOID data, ULONG size);

__declspec(dllexport) BOOL WINAPI ProcessPrng(PBYTE data, SIZE_T size)
{
    return SystemFunction036(data, (ULONG)size);
}
