namespace Daxlin.Service.Storage;

/// <summary>One version of a source of invoices. One that is retired is not looked at any more.</summary>
public sealed class SourceVersion : NamedDocument;
