using Daxlin.Service.Nodes;

namespace Daxlin.Service.Work;

/// <summary>Tells who is listening that a batch has moved on.</summary>
public sealed class BatchEvents(NodeMessages messages) : ProgressEvents(messages, "batch");
