namespace Daxlin.Service.Posting.Files;

/// <summary>A value has no place in a file: a letter that its encoding does not have.</summary>
internal sealed class UnwritableException(string table, string column, string message) : Exception(message)
{
    public string Table { get; } = table;
    public string Column { get; } = column;
}
