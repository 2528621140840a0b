using System.Text.RegularExpressions;

namespace Daxlin.Core.Json;

/// <summary>Patterns that were built already, for a template that is read again and again with small changes.</summary>
/// <remarks>Building one takes longer than capturing an invoice by it. Not to be shared between threads.</remarks>
internal sealed class PatternCache
{
    private readonly Dictionary<string, Regex> built = new(StringComparer.Ordinal);

    public Regex Of(string pattern, Func<string, Regex> build) =>
        built.TryGetValue(pattern, out var known) ? known : built[pattern] = build(pattern);
}
