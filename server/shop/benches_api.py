"""The API of devices at the benches: which are paired, one to be paired, one that is so no more; for leads alone."""

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from config.schemas import refusals
from shop import benches
from shop.confirming import check_fresh
from shop.models import BenchDevice
from shop.people import check_lead
from shop.roles import person_of
from shop.schemas import BenchDeviceRow, PairingIn, PairingOut

router = Router()


@router.get("", response={200: list[BenchDeviceRow], **refusals(401, 403)}, operation_id="bench_devices", summary="Paired devices")
def everything(request: HttpRequest) -> list[BenchDeviceRow]:
    """List the devices that ask for a PIN alone."""
    check_lead(request)
    return [BenchDeviceRow.model_validate(bench, from_attributes=True) for bench in benches.all_benches()]


@router.post("", response={201: PairingOut, **refusals(401, 403, 422)}, operation_id="bench_pairing", summary="Pair a device")
def begin(request: HttpRequest, payload: PairingIn) -> Status[PairingOut]:
    """Show a code by which one device may be paired, as letters and as a square."""
    check_lead(request)
    check_fresh(request)
    code = benches.begin_pairing(payload.name, person_of(request))
    address = request.build_absolute_uri(f"/pair#{code}")
    return Status(201, PairingOut(code=code, address=address, square=benches.square_of(address), good_for_s=benches.GOOD_FOR_S))


@router.delete("/{int:bench_id}", response={204: None, **refusals(401, 403, 404)}, operation_id="bench_unpair", summary="Unpair a device")
def end(request: HttpRequest, bench_id: int) -> Status[None]:
    """From now on that device asks for a password."""
    check_lead(request)
    check_fresh(request)
    benches.unpair(get_object_or_404(BenchDevice, pk=bench_id))
    return Status(204, None)
