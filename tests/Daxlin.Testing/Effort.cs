namespace Daxlin.Testing;

/// <summary>How hard the tests try.</summary>
/// <remarks>
/// <c>tests/mutants</c> runs them once for each of some thousand mutants and says <c>DAXLIN_EFFORT=small</c>: properties are then tried on a
/// twentieth of their examples, and what drafts a whole template is passed over.
/// </remarks>
public static class Effort
{
    public static bool IsSmall { get; } = Environment.GetEnvironmentVariable("DAXLIN_EFFORT") == "small";

    public static int Times(int all) => IsSmall ? Math.Max(4, all / 20) : all;
}
