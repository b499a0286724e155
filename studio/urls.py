from django.contrib import admin
from django.urls import include, path, re_path

from studio.api import api
from studio.page import page

handler500 = "studio.failures.answer_failure"
urlpatterns = [
    path("api/uploads/", include("studio.library.tus")),
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    path("practice/", include("practice.urls")),
    re_path(r"^(?!api/|assets/|static/|practice/).*$", page),
]
