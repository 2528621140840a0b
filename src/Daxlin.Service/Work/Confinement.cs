using System.Runtime.InteropServices;

namespace Daxlin.Service.Work;

/// <summary>Shuts a reading process off before it touches its first byte of a stranger's: no network, no other program, no other process.</summary>
/// <remarks>
/// A filter of the kernel's over what the process may ask it for (seccomp(2), seccomp-filter of Linux's userspace-api), for all of its threads and for good. What is refused
/// is refused as "not permitted", so that a library that tries is told and nothing else ends. Files are not shut off: the process reads documents and writes results.
/// </remarks>
internal static partial class Confinement
{
    private const int PrSetNoNewPrivs = 38;
    private const int SetModeFilter = 1;
    private const int OnAllThreads = 1;
    private const int NotPermitted = 1;
    private const int InternetFamily = 2;

    // Of the classic packet filter's machine: what is loaded, compared and answered with.
    private const ushort Load = 0x20;
    private const ushort JumpIfEqual = 0x15;
    private const ushort JumpIfAtLeast = 0x35;
    private const ushort Return = 0x06;
    private const uint Allow = 0x7fff0000;
    private const uint Refuse = 0x00050000 | NotPermitted;

    // Where the kernel says what is asked for (struct seccomp_data).
    private const uint NumberAt = 0;
    private const uint ArchitectureAt = 4;
    private const uint FirstArgumentAt = 16;

    /// <summary>Numbers from here on are another way into the same kernel of 64-bit machines of Intel's kind.</summary>
    private const uint OtherWayIn = 0x40000000;

    /// <summary>Makes this process one that is shut off, and tries whether it is.</summary>
    /// <returns>Why it is not; empty if it is.</returns>
    public static string Begin()
    {
        if (!OperatingSystem.IsLinux() || Machine.OfThis is not { } machine)
            return $"this is {RuntimeInformation.RuntimeIdentifier}, for which there is no way to do so";
        // When memory runs out, this process is to go, and neither the service nor the database. One may always make oneself the first.
        Try(() => File.WriteAllText("/proc/self/oom_score_adj", "1000"));
        try
        {
            if (ControlProcess(PrSetNoNewPrivs, 1, 0, 0, 0) != 0)
                return $"the kernel refused it ({Marshal.GetLastPInvokeErrorMessage()})";
            var refused = Filter(machine, (uint)Environment.ProcessId);
            var program = GCHandle.Alloc(refused, GCHandleType.Pinned);
            try
            {
                var head = new FilterHead { Length = (ushort)refused.Length, Program = program.AddrOfPinnedObject() };
                if (AskKernel(machine.Seccomp, SetModeFilter, OnAllThreads, ref head) != 0)
                    return $"the kernel refused it ({Marshal.GetLastPInvokeErrorMessage()})";
            }
            finally
            {
                program.Free();
            }
            if (OpenSocket(InternetFamily, 1, 0) is >= 0 and var opened)
                return $"the kernel took it and opened the connection {opened} all the same";
            return "";
        }
        catch (Exception error) when (error is DllNotFoundException or EntryPointNotFoundException)
        {
            return $"the system's library has no way to do so ({error.Message})";
        }
    }

    private static Instruction[] Filter(Machine machine, uint self)
    {
        var refused = machine.Refused;
        // A jump is so many instructions wide, counted from the one after it; the long ones end at the last but one, which refuses.
        var program = new List<Instruction>
        {
            new(Load, 0, 0, ArchitectureAt),
            new(JumpIfEqual, 1, 0, machine.Kind),
            new(Return, 0, 0, Refuse),
            new(Load, 0, 0, NumberAt),
            new(JumpIfAtLeast, (byte)(refused.Length + 4), 0, OtherWayIn),
        };
        for (var i = 0; i < refused.Length; i++)
            program.Add(new(JumpIfEqual, (byte)(refused.Length - i + 3), 0, refused[i]));
        // A signal to a thread is how the runtime stops its own; to one of another process it is not let through.
        program.AddRange(
        [
            new(JumpIfEqual, 1, 0, machine.SignalThread),
            new(Return, 0, 0, Allow),
            new(Load, 0, 0, FirstArgumentAt),
            new(JumpIfEqual, 1, 0, self),
            new(Return, 0, 0, Refuse),
            new(Return, 0, 0, Allow),
        ]);
        return [.. program];
    }

    private static void Try(Action act)
    {
        try
        {
            act();
        }
        catch (Exception error) when (error is IOException or UnauthorizedAccessException)
        {
            // It makes nothing worse.
        }
    }

    /// <summary>The numbers of a kind of processor's calls.</summary>
    /// <param name="Refused">
    /// socket, connect, accept, bind, listen, socketpair, accept4; execve, execveat, fork and vfork where there are any; kill, tkill, ptrace, process_vm_readv, process_vm_writev, pidfd_open,
    /// pidfd_getfd; unshare, setns, mount, umount2, bpf, userfaultfd, io_uring_setup, perf_event_open, open_by_handle_at, add_key, request_key, keyctl, init_module, finit_module, kexec_load.
    /// </param>
    private sealed record Machine(uint Kind, int Seccomp, uint SignalThread, uint[] Refused)
    {
        public static Machine? OfThis => RuntimeInformation.ProcessArchitecture switch
        {
            Architecture.X64 => new(0xc000003e, 317, 234,
                [41, 42, 43, 49, 50, 53, 288, 59, 322, 57, 58, 62, 200, 101, 310, 311, 434, 438, 272, 308, 165, 166, 321, 323, 425, 298, 304, 248, 249, 250, 175, 313, 246]),
            Architecture.Arm64 => new(0xc00000b7, 277, 131,
                [198, 203, 202, 200, 201, 199, 242, 221, 281, 129, 130, 117, 270, 271, 434, 438, 97, 268, 40, 39, 280, 282, 425, 241, 265, 217, 218, 219, 105, 273, 104]),
            _ => null,
        };
    }

    [StructLayout(LayoutKind.Sequential)]
    private readonly record struct Instruction(ushort Code, byte IfSo, byte IfNot, uint Value);

    [StructLayout(LayoutKind.Sequential)]
    private struct FilterHead
    {
        public ushort Length;
        public nint Program;
    }

    [LibraryImport("libc", EntryPoint = "prctl", SetLastError = true)]
    private static partial int ControlProcess(int option, nuint second, nuint third, nuint fourth, nuint fifth);

    [LibraryImport("libc", EntryPoint = "syscall", SetLastError = true)]
    private static partial nint AskKernel(nint number, nint operation, nint flags, ref FilterHead filter);

    [LibraryImport("libc", EntryPoint = "socket", SetLastError = true)]
    private static partial int OpenSocket(int family, int type, int protocol);
}
