using Daxlin.Service.Nodes;
using Daxlin.Service.Work;

namespace Daxlin.Service.Posting.Deliveries;

/// <summary>Tells who is listening that a delivery of a run has moved on.</summary>
public sealed class DeliveryEvents(NodeMessages messages) : ProgressEvents(messages, "run-delivery");
