namespace Daxlin.Core.Json;

/// <summary>One thing wrong with a document of ours: a template, a layout.</summary>
/// <param name="Place">The key's path: <c>blocks[0].columns.quantity.type</c>.</param>
/// <param name="Line">The line in the document, from 1; 0 if unknown.</param>
/// <param name="Message">A sentence that says what is wrong.</param>
/// <param name="IsWarning">Says that the document can be used all the same.</param>
public sealed record JsonFault(string Place, int Line, string Message, bool IsWarning = false)
{
    public override string ToString() => $"line {Line}, {Place}: {Message}";
}
