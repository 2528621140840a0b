using System.Reflection;

namespace Daxlin.Service.Operation;

/// <summary>What runs.</summary>
internal static class ThisProgram
{
    /// <example>0.1.0</example>
    public static string Version { get; } = typeof(ThisProgram).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()!.InformationalVersion;

    public static DateTime StartedAt { get; } = System.Diagnostics.Process.GetCurrentProcess().StartTime.ToUniversalTime();
}
