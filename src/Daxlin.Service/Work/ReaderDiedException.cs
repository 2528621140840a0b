namespace Daxlin.Service.Work;

/// <summary>The process that worked on a document died: of the document, or of something else on this machine.</summary>
public sealed class ReaderDiedException(Exception inner) : Exception("The reading process ended without an answer.", inner);
