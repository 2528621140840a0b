namespace Daxlin.Service.Storage;

/// <summary>The disk or the database cannot do what is wanted; the message is a sentence for the operator.</summary>
public sealed class StorageException(string code, string sentence, Exception? inner = null) : Exception(sentence, inner)
{
    /// <summary>disk-full, folder-read-only, database-damaged, document-missing, document-altered.</summary>
    public string Code { get; } = code;
}
